// PrimeNG's and the CDK's classes are compiled when they are first met.
import '@angular/compiler';
